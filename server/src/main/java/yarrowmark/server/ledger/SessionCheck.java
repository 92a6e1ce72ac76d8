package yarrowmark.server.ledger;

import jakarta.persistence.Embeddable;

/** One line of the checklist as it stood that day, and whether it was ticked. */
@Embeddable
class SessionCheck {
    String text;
    boolean ticked;
    String person;

    protected SessionCheck() {}

    SessionCheck(String text, boolean ticked, String person) {
        this.text = text;
        this.ticked = ticked;
        this.person = person;
    }
}
