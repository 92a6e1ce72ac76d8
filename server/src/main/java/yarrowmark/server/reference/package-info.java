/** Scores that others published: kept with their source, never ranked or averaged with own readings. */
package yarrowmark.server.reference;
