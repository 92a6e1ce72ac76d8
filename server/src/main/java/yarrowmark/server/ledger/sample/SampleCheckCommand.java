package yarrowmark.server.ledger.sample;

import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.condition.ConditionalOnExpression;
import org.springframework.context.ApplicationContext;
import org.springframework.stereotype.Component;

/** bin/samples: checks or rebuilds, says what was found, and ends the program; 1 where something is not sound. */
@Component
@ConditionalOnExpression("'${yarrowmark.samples:}' != ''")
class SampleCheckCommand implements ApplicationRunner {
    private final SampleCheck check;
    private final ApplicationContext context;
    private final boolean rebuild;

    SampleCheckCommand(SampleCheck check, ApplicationContext context, @Value("${yarrowmark.samples}") String what) {
        this.check = check;
        this.context = context;
        this.rebuild = what.equals("rebuild");
    }

    @Override
    public void run(ApplicationArguments arguments) {
        SampleCheck.Report report = rebuild ? check.rebuild() : check.check();
        System.out.println(report.words());
        boolean sound = report.sound();
        if (rebuild && !sound) {
            sound = check.check().sound();
            System.out.println(sound ? "They were made anew from their readings." : "Some could not be made anew.");
        }
        int code = sound ? 0 : 1;
        System.exit(SpringApplication.exit(context, () -> code));
    }
}
