/** Which tests are worth their time: how much of a standing some of its tests would have told. Section 10 of the method. */
@NullMarked
package yarrowmark.core.choice;

import org.jspecify.annotations.NullMarked;
