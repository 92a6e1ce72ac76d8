/** What the totals of built-in suites are held against. */
package yarrowmark.core.calibration;
