/** Values computed from other values of a session by a formula that a person wrote. */
@NullMarked
package yarrowmark.core.formula;

import org.jspecify.annotations.NullMarked;
