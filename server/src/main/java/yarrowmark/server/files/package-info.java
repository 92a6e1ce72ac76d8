/** Files that people attach: kept by the hash of their content, served so that nothing in them can act. */
package yarrowmark.server.files;
