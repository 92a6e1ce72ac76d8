/** Models, units and configurations with their facts; checklists; searching them all. */
package yarrowmark.server.shelf;
