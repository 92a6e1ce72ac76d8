/** Reading facts out of what a system's own tools print. The rules are data: one file for each tool. */
package yarrowmark.core.capture;
