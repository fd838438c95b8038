package org.mellowclass.app.web;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpStatus;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configuration.EnableWebSecurity;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.HttpStatusEntryPoint;
import org.springframework.security.web.authentication.LoginUrlAuthenticationEntryPoint;
import org.springframework.security.web.authentication.logout.HeaderWriterLogoutHandler;
import org.springframework.security.web.authentication.session.ChangeSessionIdAuthenticationStrategy;
import org.springframework.security.web.authentication.session.CompositeSessionAuthenticationStrategy;
import org.springframework.security.web.authentication.session.SessionAuthenticationStrategy;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextHolderFilter;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfAuthenticationStrategy;
import org.springframework.security.web.csrf.CsrfFilter;
import org.springframework.security.web.csrf.CsrfTokenRepository;
import org.springframework.security.web.header.writers.ClearSiteDataHeaderWriter;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.springframework.security.web.util.matcher.OrRequestMatcher;
import org.springframework.security.web.util.matcher.RequestHeaderRequestMatcher;
import org.springframework.security.web.util.matcher.RequestMatcher;
import org.springframework.session.config.SessionRepositoryCustomizer;
import org.springframework.session.jdbc.JdbcIndexedSessionRepository;
import org.springframework.session.jdbc.MySqlJdbcIndexedSessionRepositoryCustomizer;
import org.springframework.transaction.support.TransactionOperations;
import org.springframework.web.servlet.FlashMap;
import org.springframework.web.servlet.FlashMapManager;
import org.springframework.web.servlet.HandlerExceptionResolver;
import org.springframework.web.servlet.support.AbstractFlashMapManager;

/** Who has to be signed in, and what browsers are told. Whose things are whose is checked in the services. */
@Configuration
@EnableWebSecurity
class SecurityConfiguration {

    private static final String CONTENT_SECURITY_POLICY = String.join("; ", "default-src 'none'", "script-src 'self'",
            "style-src 'self'", "img-src 'self' data:", "font-src 'self'", "connect-src 'self'", "media-src 'self' blob:",
            "worker-src 'self'", "form-action 'self'", "frame-ancestors 'none'", "base-uri 'none'");

    /** What ships with the application, the same for everybody: it needs no session, and comes when the database is away. */
    private static final RequestMatcher SHIPPED = new OrRequestMatcher(Stream.of("/css/", "/js/", "/vendor/", "/img/", "/sound/", "/build-")
            .<RequestMatcher>map(start -> request -> request.getServletPath().startsWith(start)).toList());

    /** Scripts are told plainly that nobody is signed in; a page would be taken for an answer. */
    private static final RequestMatcher BY_SCRIPT = new OrRequestMatcher(
            new RequestHeaderRequestMatcher("X-Requested-With"), new RequestHeaderRequestMatcher("HX-Request"));

    /** Two requests of one browser may write its session at the same moment: the later one counts, and neither fails. */
    @Bean
    MySqlJdbcIndexedSessionRepositoryCustomizer sessionsWrittenAtOnce() {
        return new MySqlJdbcIndexedSessionRepositoryCustomizer();
    }

    /** When somebody was last here is kept to the minute: a row that stays as it was is not written, so that one request a minute waits for the disk, not each. */
    @Bean
    SessionRepositoryCustomizer<JdbcIndexedSessionRepository> seenToTheMinute() {
        return sessions -> sessions.setUpdateSessionQuery("""
                UPDATE %TABLE_NAME%
                SET SESSION_ID = ?, LAST_ACCESS_TIME = ? DIV 60000 * 60000, MAX_INACTIVE_INTERVAL = ?, EXPIRY_TIME = ? DIV 60000 * 60000, PRINCIPAL_NAME = ?
                WHERE PRIMARY_ID = ?""");
    }

    /** Each statement of a session stands for itself, so that no request waits for a beginning and an end around every one of them. */
    @Bean(defaultCandidate = false)
    TransactionOperations springSessionTransactionOperations() {
        return TransactionOperations.withoutTransaction();
    }

    /** Nothing is carried from one request to the next: Spring MVC would look into the session for it at every request, for files too. */
    @Bean
    FlashMapManager flashMapManager() {
        return new AbstractFlashMapManager() {
            @Override
            protected List<FlashMap> retrieveFlashMaps(HttpServletRequest request) {
                return null;
            }

            @Override
            protected void updateFlashMaps(List<FlashMap> maps, HttpServletRequest request, HttpServletResponse response) {
                throw new IllegalStateException("nothing is kept for a next request");
            }
        };
    }

    @Bean
    SecurityFilterChain security(HttpSecurity http, SecurityContextRepository contexts, CsrfTokenRepository tokens, Clock clock, LargeBodies bodies,
                                 @Qualifier("handlerExceptionResolver") HandlerExceptionResolver refusals) throws Exception {
        return http
                .authorizeHttpRequests(requests -> requests
                        .requestMatchers(SHIPPED).permitAll()
                        .requestMatchers("/sign-in", "/sign-in/**", "/first-start", "/invitations/**", "/uploads/**", "/f/**", "/health/**", "/error").permitAll()
                        .anyRequest().authenticated())
                .securityContext(context -> context.securityContextRepository(contexts))
                // what pages have cached goes from the laptop; sound that waits to be sent stays
                .logout(logout -> logout.logoutUrl("/sign-out").logoutSuccessUrl("/sign-in?left")
                        .addLogoutHandler(new HeaderWriterLogoutHandler(new ClearSiteDataHeaderWriter(ClearSiteDataHeaderWriter.Directive.CACHE))))
                .exceptionHandling(handling -> handling
                        .authenticationEntryPoint(entrance()))
                .requestCache(cache -> cache.disable())
                .headers(headers -> headers
                        .contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_SECURITY_POLICY))
                        .referrerPolicy(policy -> policy.policy(ReferrerPolicy.SAME_ORIGIN))
                        .permissionsPolicyHeader(policy -> policy.policy("microphone=(self), camera=(), geolocation=()")))
                // recordings go on when their owner has signed out: each has a random key of its own instead
                .csrf(csrf -> csrf.csrfTokenRepository(tokens).ignoringRequestMatchers("/uploads/**"))
                .addFilterBefore(new SchoolDay(clock, SHIPPED), SecurityContextHolderFilter.class)
                .addFilterBefore(new KnownSender(entrance(), bodies, refusals), CsrfFilter.class)
                .build();
    }

    private static AuthenticationEntryPoint entrance() {
        return (request, response, unknown) -> (BY_SCRIPT.matches(request) ? new HttpStatusEntryPoint(HttpStatus.UNAUTHORIZED)
                : new LoginUrlAuthenticationEntryPoint("/sign-in")).commence(request, response, unknown);
    }

    @Bean
    SecurityContextRepository securityContextRepository() {
        return new HttpSessionSecurityContextRepository();
    }

    /** In a cookie that no script can read, so that a look at the sign-in page makes no session. */
    @Bean
    CsrfTokenRepository csrfTokens() {
        CookieCsrfTokenRepository tokens = new CookieCsrfTokenRepository();
        tokens.setCookieCustomizer(cookie -> cookie.sameSite("Lax"));
        return tokens;
    }

    /** A new session id and a new CSRF token at each sign-in. */
    @Bean
    SessionAuthenticationStrategy sessionAuthenticationStrategy(CsrfTokenRepository tokens) {
        return new CompositeSessionAuthenticationStrategy(List.of(new ChangeSessionIdAuthenticationStrategy(),
                new CsrfAuthenticationStrategy(tokens)));
    }

    @Bean
    PasswordEncoder passwordEncoder() {
        // those of earlier versions stay readable
        return new DelegatingPasswordEncoder(LongSecrets.ID, Map.of(LongSecrets.ID, new LongSecrets(), "bcrypt", new BCryptPasswordEncoder()));
    }

    /** Sign-in is by two forms of our own; this bean keeps Spring Boot from making a user with a printed password. */
    @Bean
    UserDetailsService nobody() {
        return name -> {
            throw new UsernameNotFoundException("accounts are not looked up by name alone");
        };
    }
}
