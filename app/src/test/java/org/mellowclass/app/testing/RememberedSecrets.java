package org.mellowclass.app.testing;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.boot.test.context.TestComponent;
import org.springframework.security.crypto.password.PasswordEncoder;

/**
 * Asks the application's own encoder once for each secret: it is slow on purpose, and each school of each test has six.
 */
@TestComponent
public class RememberedSecrets implements BeanPostProcessor {

    @Override
    public Object postProcessAfterInitialization(Object bean, String name) {
        return bean instanceof PasswordEncoder encoder ? new Remembering(encoder) : bean;
    }

    private record Remembering(PasswordEncoder real, Map<String, String> encoded, Map<String, Boolean> matched) implements PasswordEncoder {

        Remembering(PasswordEncoder real) {
            this(real, new ConcurrentHashMap<>(), new ConcurrentHashMap<>());
        }

        @Override
        public String encode(CharSequence secret) {
            return encoded.computeIfAbsent(secret.toString(), real::encode);
        }

        @Override
        public boolean matches(CharSequence secret, String kept) {
            return matched.computeIfAbsent(secret + "\n" + kept, asked -> real.matches(secret, kept));
        }

        @Override
        public boolean upgradeEncoding(String kept) {
            return real.upgradeEncoding(kept);
        }
    }
}
