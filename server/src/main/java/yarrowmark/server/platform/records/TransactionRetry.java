package yarrowmark.server.platform.records;

import java.sql.SQLException;
import java.time.Duration;
import java.util.Optional;
import java.util.Set;
import org.aopalliance.intercept.MethodInterceptor;
import org.aopalliance.intercept.MethodInvocation;
import org.jspecify.annotations.Nullable;
import org.springframework.aop.ProxyMethodInvocation;
import org.springframework.aop.support.ComposablePointcut;
import org.springframework.aop.support.DefaultPointcutAdvisor;
import org.springframework.aop.support.annotation.AnnotationMatchingPointcut;
import org.springframework.beans.factory.config.BeanDefinition;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Role;
import org.springframework.core.Ordered;
import org.springframework.core.retry.RetryException;
import org.springframework.core.retry.RetryPolicy;
import org.springframework.core.retry.RetryTemplate;
import org.springframework.core.retry.Retryable;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * A transaction that lost against another one is done once more, whole. After a deadlock it simply succeeds. After two
 * have checked at once that something is not there and both put it in, the database refuses the second, which then finds
 * what the first one made, and gives the answer of its check.
 */
@Configuration
@Role(BeanDefinition.ROLE_INFRASTRUCTURE)
public class TransactionRetry {
    private static final int DEADLOCK = 1213;
    private static final int DUPLICATE = 1062;
    /** A row that others point to, or one pointed to that went meanwhile. */
    private static final Set<Integer> LOST = Set.of(DEADLOCK, DUPLICATE, 1451, 1452);

    private static final RetryTemplate RETRY = new RetryTemplate(RetryPolicy.builder()
            .predicate(TransactionRetry::lostAgainstAnother)
            .maxRetries(6)
            .delay(Duration.ofMillis(15))
            .jitter(Duration.ofMillis(10))
            .multiplier(2)
            .build());

    @Bean
    @Role(BeanDefinition.ROLE_INFRASTRUCTURE)
    static DefaultPointcutAdvisor transactionsTriedAgain() {
        DefaultPointcutAdvisor advisor = new DefaultPointcutAdvisor(
                new ComposablePointcut(AnnotationMatchingPointcut.forMethodAnnotation(Transactional.class))
                        .union(AnnotationMatchingPointcut.forClassAnnotation(Transactional.class)),
                (MethodInterceptor) TransactionRetry::whole);
        // Around the transaction, not inside of it.
        advisor.setOrder(Ordered.HIGHEST_PRECEDENCE);
        return advisor;
    }

    private static @Nullable Object whole(MethodInvocation call) throws Throwable {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            // A part of a transaction cannot be done again on its own.
            return call.proceed();
        }
        return again(() -> Optional.ofNullable(
                        ((ProxyMethodInvocation) call).invocableClone().proceed()))
                .orElse(null);
    }

    static void run(Runnable work) {
        try {
            again(() -> {
                work.run();
                return Optional.empty();
            });
        } catch (RuntimeException | Error e) {
            throw e;
        } catch (Throwable e) {
            throw new IllegalStateException(e);
        }
    }

    private static Optional<Object> again(Retryable<Optional<Object>> work) throws Throwable {
        try {
            return RETRY.execute(work);
        } catch (RetryException e) {
            throw e.getCause();
        }
    }

    public static boolean lostAgainstAnother(Throwable e) {
        return LOST.contains(code(e));
    }

    /** @return what the database calls it; 0 where it said nothing */
    static int code(Throwable e) {
        int code = 0;
        for (Throwable t = e; t != null; t = t.getCause()) {
            if (t instanceof SQLException sql && sql.getErrorCode() != 0) {
                code = sql.getErrorCode();
            }
        }
        return code;
    }
}
