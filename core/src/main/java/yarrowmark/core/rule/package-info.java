/** Reading rules: how scores are taken out of what a tool printed. */
@NullMarked
package yarrowmark.core.rule;

import org.jspecify.annotations.NullMarked;
