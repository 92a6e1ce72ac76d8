/** What two changes do by themselves and together. Section 8 of the method. */
package yarrowmark.core.factor;
