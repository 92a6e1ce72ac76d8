/** Reading rules: how scores are taken out of what a tool printed. */
package yarrowmark.core.rule;
