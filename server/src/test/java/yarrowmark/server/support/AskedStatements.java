package yarrowmark.server.support;

import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import javax.sql.DataSource;
import net.ttddyy.dsproxy.ExecutionInfo;
import net.ttddyy.dsproxy.QueryInfo;
import net.ttddyy.dsproxy.listener.QueryExecutionListener;
import net.ttddyy.dsproxy.support.ProxyDataSourceBuilder;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.boot.test.context.TestConfiguration;
import org.springframework.context.annotation.Bean;

/** Counts the statements that requests send to the database, and none of what runs beside them. */
public final class AskedStatements implements QueryExecutionListener {
    private final AtomicLong count = new AtomicLong();

    @TestConfiguration
    static class Wiring {
        private static final AskedStatements ASKED = new AskedStatements();

        @Bean
        static AskedStatements askedStatements() {
            return ASKED;
        }

        @Bean
        static BeanPostProcessor countStatements() {
            return new BeanPostProcessor() {
                @Override
                public Object postProcessAfterInitialization(Object bean, String name) {
                    return bean instanceof DataSource source
                            ? ProxyDataSourceBuilder.create(source)
                                    .listener(ASKED)
                                    .build()
                            : bean;
                }
            };
        }
    }

    public long count() {
        return count.get();
    }

    @Override
    public void beforeQuery(ExecutionInfo execution, List<QueryInfo> queries) {
        if (Thread.currentThread().getName().contains("-exec-")) {
            count.incrementAndGet();
        }
    }

    @Override
    public void afterQuery(ExecutionInfo execution, List<QueryInfo> queries) {
        // Counted before.
    }
}
