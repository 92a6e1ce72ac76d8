/** Whether a reading is sound: marks with their reason, which suggest and decide nothing. Section 6. */
package yarrowmark.core.quality;
