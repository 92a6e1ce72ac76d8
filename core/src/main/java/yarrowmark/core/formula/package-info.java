/** Values computed from other values of a session by a formula that a person wrote. */
package yarrowmark.core.formula;
