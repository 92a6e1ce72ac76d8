/** Reading rules: how scores of a suite are taken out of what tools print, and taking them. */
@NullMarked
package yarrowmark.server.rule;

import org.jspecify.annotations.NullMarked;
