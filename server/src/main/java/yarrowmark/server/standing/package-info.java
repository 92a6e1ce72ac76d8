/** Standings: who is ranked by what against whom, and why each stands where it does. */
@NullMarked
package yarrowmark.server.standing;

import org.jspecify.annotations.NullMarked;
