/** Readings of many points: curves over x, and times of frames. Section 9. */
package yarrowmark.core.curve;
