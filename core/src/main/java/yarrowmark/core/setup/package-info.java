/** Configurations: the vocabulary of facts, how facts differ, what a change is called, fingerprints. */
@NullMarked
package yarrowmark.core.setup;

import org.jspecify.annotations.NullMarked;
