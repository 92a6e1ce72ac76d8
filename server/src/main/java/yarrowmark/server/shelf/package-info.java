/** Models, units and configurations with their facts. */
package yarrowmark.server.shelf;
