/** How long a plan takes, and how long is left of it. */
package yarrowmark.core.plan;
