package yarrowmark.server.ledger.record;

import jakarta.persistence.Embeddable;

/** One line of the checklist as it stood that day, and whether it was ticked. */
@Embeddable
public class SessionCheck {
    public String text;
    public boolean ticked;
    public String person;

    protected SessionCheck() {}

    SessionCheck(String text, boolean ticked, String person) {
        this.text = text;
        this.ticked = ticked;
        this.person = person;
    }
}
