/**
 * Brightness of the drawing without labels, field by field, as drawn by Chromium 156 in software. Other engines smooth
 * edges in other ways, which moves a field by well under the tolerance; a missing layer moves it by much more.
 */
export const KNOWN_GRID: readonly number[] = [
  219.7, 216.5, 210.9, 216, 216, 207.2, 224.1, 223.6, 217.4, 202.9, 184.8, 178.8, 177.4, 196.7, 209.7, 215.1,
  211.9, 196.3, 160.5, 163.1, 159, 178.3, 186.2, 221.9, 219.1, 212, 166.4, 157.1, 163, 175.3, 200.6, 222.3,
  181.2, 174.2, 167.6, 155.9, 150.6, 153.1, 181.4, 185.8, 177.9, 176.1, 170.6, 166.7, 167, 163.9, 177.5, 176.2,
];
export const TOLERANCE = 4;
