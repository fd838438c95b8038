package org.mellowclass.app.testing;

import java.util.concurrent.atomic.AtomicInteger;

import org.apache.ibatis.executor.Executor;
import org.apache.ibatis.mapping.MappedStatement;
import org.apache.ibatis.plugin.Interceptor;
import org.apache.ibatis.plugin.Intercepts;
import org.apache.ibatis.plugin.Invocation;
import org.apache.ibatis.plugin.Signature;
import org.apache.ibatis.session.ResultHandler;
import org.apache.ibatis.session.RowBounds;
import org.springframework.boot.test.context.TestComponent;

/** Counts the SQL statements that this thread sends through MyBatis. */
@TestComponent
@Intercepts({@Signature(type = Executor.class, method = "query",
        args = {MappedStatement.class, Object.class, RowBounds.class, ResultHandler.class}),
    @Signature(type = Executor.class, method = "update", args = {MappedStatement.class, Object.class})})
public class Statements implements Interceptor {

    private final ThreadLocal<AtomicInteger> count = ThreadLocal.withInitial(AtomicInteger::new);

    @Override
    public Object intercept(Invocation invocation) throws Throwable {
        count.get().incrementAndGet();
        return invocation.proceed();
    }

    /** Something that sends statements. */
    @FunctionalInterface
    public interface Work {
        void run() throws Exception;
    }

    public int sentBy(Work work) throws Exception {
        int before = count.get().get();
        work.run();
        return count.get().get() - before;
    }
}
