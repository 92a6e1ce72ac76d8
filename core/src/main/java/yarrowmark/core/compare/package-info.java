/** Is one sample better than another, by how much, and is that real. Section 3 of the method. */
package yarrowmark.core.compare;
