/** Scores that people type: reading them, and noticing likely slips. */
package yarrowmark.core.entry;
