package oakbasket.server.web;

import static org.springframework.http.HttpMethod.GET;
import static org.springframework.http.HttpMethod.HEAD;

import jakarta.servlet.DispatcherType;
import oakbasket.server.Settings;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;

/** Who may call what, and the headers every answer carries. */
@Configuration(proxyBeanMethods = false)
class SecurityConfig {

    /** Cost 12 of bcrypt; passwords longer than the 72 bytes that bcrypt reads are refused when they are set. */
    private static final int BCRYPT_COST = 12;

    private static final String CONTENT_SECURITY_POLICY = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; "
            + "font-src 'self'; connect-src 'self'; worker-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

    /** What strangers reach: pages, their parts, the sender's side, signing in. None of it reads a session, so none needs a CSRF token. */
    private static final String[] SENDER_SIDE = {"/api/basket/**", "/api/uploads/**", "/api/uploads"};
    private static final String[] PAGES = {"/", "/sign-in", "/welcome", "/rounds/**", "/contacts/**", "/post", "/setup/**", "/calendar/**", "/b/**", "/rehearsal/**", "/assets/**", "/favicon.svg", "/favicon.ico", "/robots.txt"};

    @Bean
    SecurityFilterChain chain(HttpSecurity http, ProblemWriter problems, SecurityContextRepository contexts) throws Exception {
        return http
                .authorizeHttpRequests(who -> who
                        .dispatcherTypeMatchers(DispatcherType.ASYNC, DispatcherType.ERROR, DispatcherType.FORWARD).permitAll()
                        .requestMatchers(SENDER_SIDE).permitAll()
                        .requestMatchers(GET, PAGES).permitAll()
                        .requestMatchers(HEAD, PAGES).permitAll()
                        .requestMatchers("/api/session", "/api/first-account", "/actuator/health/**", "/api/openapi.json").permitAll()
                        .anyRequest().authenticated())
                .csrf(csrf -> csrf.spa().ignoringRequestMatchers(SENDER_SIDE))
                .securityContext(context -> context.securityContextRepository(contexts))
                .requestCache(cache -> cache.disable())
                .httpBasic(basic -> basic.disable())
                .formLogin(form -> form.disable())
                .logout(logout -> logout.disable())
                .exceptionHandling(handling -> handling
                        .authenticationEntryPoint((request, response, problem) -> problems.write(Problem.of(HttpStatus.UNAUTHORIZED, "sign-in-needed"), response))
                        .accessDeniedHandler((request, response, problem) -> problems.write(Problem.of(HttpStatus.FORBIDDEN, "csrf"), response)))
                .headers(headers -> headers
                        .contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_SECURITY_POLICY))
                        .referrerPolicy(policy -> policy.policy(org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy.NO_REFERRER))
                        .permissionsPolicyHeader(policy -> policy.policy("camera=(), microphone=(), geolocation=(), interest-cohort=()"))
                        .httpStrictTransportSecurity(hsts -> hsts.includeSubDomains(false)))
                .build();
    }

    @Bean
    SecurityContextRepository contexts() {
        return new HttpSessionSecurityContextRepository();
    }

    @Bean
    PasswordEncoder passwordEncoder() {
        return new BCryptPasswordEncoder(BCRYPT_COST);
    }

    /** No accounts of Spring's own making. */
    @Bean
    AuthenticationManager noOtherAccounts() {
        return authentication -> {
            throw new UnsupportedOperationException("Signing in goes through the account service");
        };
    }

    /** Behind https the session cookie is for https alone. */
    @Bean
    FilterRegistrationBean<SecureCookieFilter> secureCookies(Settings settings) {
        FilterRegistrationBean<SecureCookieFilter> registration = new FilterRegistrationBean<>(new SecureCookieFilter());
        registration.setEnabled(settings.publicAddress() != null && "https".equals(settings.publicAddress().getScheme()));
        registration.setOrder(Integer.MIN_VALUE);
        return registration;
    }
}
