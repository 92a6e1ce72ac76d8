/** Whether a reading is sound: marks with their reason, which suggest and decide nothing. Section 6. */
@NullMarked
package yarrowmark.core.quality;

import org.jspecify.annotations.NullMarked;
