/** What a reading is: its direction, its scale, how exactly it is known, and its merit. Section 1 of the method. */
package yarrowmark.core.measure;
