/** Standings: who is ranked by what against whom, and why each stands where it does. */
package yarrowmark.server.standing;
