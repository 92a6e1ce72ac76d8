/** What a battery's level over time comes to. */
@NullMarked
package yarrowmark.core.battery;

import org.jspecify.annotations.NullMarked;
