package oakbasket.server.web;

import static org.springframework.http.HttpMethod.GET;
import static org.springframework.http.HttpMethod.HEAD;

import jakarta.servlet.DispatcherType;
import oakbasket.server.Settings;
import oakbasket.server.problem.Problem;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.config.Customizer;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;

/** Who may call what, and the headers every answer carries. */
@Configuration(proxyBeanMethods = false)
class SecurityConfig {

    /** Cost 12 of bcrypt; passwords longer than the 72 bytes that bcrypt reads are refused when they are set. */
    private static final int BCRYPT_COST = 12;

    /** What strangers reach: pages, their parts, the sender's side, signing in. None of it reads a session, so none needs a CSRF token. */
    private static final String[] SENDER_SIDE = {"/api/basket/**", "/api/uploads/**", "/api/uploads", "/api/pick-up/**", "/api/pick-up", "/api/place/**"};
    private static final String[] PAGES = {"/", "/sign-in", "/welcome", "/join", "/new-password", "/forgotten", "/rounds/**", "/contacts/**", "/post", "/post/**", "/post-office", "/links", "/quarantine", "/filing", "/journal", "/tray", "/folders", "/setup/**", "/calendar/**", "/b", "/b/**", "/B/**", "/f/**", "/p", "/p/**", "/P/**", "/d/**", "/x/**", "/exchanges", "/exchanges/**", "/parcels", "/parcels/**", "/team", "/audit", "/receipt", "/brand/**", "/rehearsal/**", "/assets/**", "/favicon.svg", "/favicon.ico", "/robots.txt"};

    @Bean
    SecurityFilterChain chain(HttpSecurity http, ProblemWriter problems, SecurityContextRepository contexts, CookieCsrfTokenRepository csrfTokens) throws Exception {
        return http
                .authorizeHttpRequests(who -> who
                        .dispatcherTypeMatchers(DispatcherType.ASYNC, DispatcherType.ERROR, DispatcherType.FORWARD).permitAll()
                        .requestMatchers(SENDER_SIDE).permitAll()
                        .requestMatchers(GET, PAGES).permitAll()
                        .requestMatchers(HEAD, PAGES).permitAll()
                        .requestMatchers("/api/session", "/api/session/passkey", "/api/session/passkey-offer", "/api/first-account", "/api/joining", "/api/joining/look", "/api/password-reset", "/actuator/health/**").permitAll()
                        .anyRequest().authenticated())
                .csrf(csrf -> csrf.spa().csrfTokenRepository(csrfTokens).ignoringRequestMatchers(SENDER_SIDE))
                .securityContext(context -> context.securityContextRepository(contexts))
                .requestCache(cache -> cache.disable())
                .httpBasic(basic -> basic.disable())
                .formLogin(form -> form.disable())
                .logout(logout -> logout.disable())
                .exceptionHandling(handling -> handling
                        .authenticationEntryPoint((request, response, problem) -> problems.write(Problem.of(Problem.Kind.SIGN_IN_NEEDED, "sign-in-needed"), response))
                        .accessDeniedHandler((request, response, problem) -> problems.write(Problem.of(Problem.Kind.FORBIDDEN, "csrf"), response)))
                // The headers that protect stand on every answer already (http.ProtectingHeaders), also on those that never come here.
                .headers(headers -> headers.defaultsDisabled().cacheControl(Customizer.withDefaults()))
                .build();
    }

    @Bean
    CookieCsrfTokenRepository csrfTokens(Settings settings) {
        CookieCsrfTokenRepository tokens = CookieCsrfTokenRepository.withHttpOnlyFalse();
        tokens.setCookieCustomizer(cookie -> cookie.secure(settings.https()).sameSite("Lax"));
        return tokens;
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
}
