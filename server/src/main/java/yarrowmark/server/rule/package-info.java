/** Reading rules: how scores of a suite are taken out of what tools print, and taking them. */
package yarrowmark.server.rule;
