/** Configurations: the vocabulary of facts, how facts differ, what a change is called, fingerprints. */
package yarrowmark.core.setup;
