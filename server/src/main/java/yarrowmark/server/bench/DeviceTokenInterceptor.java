package yarrowmark.server.bench;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Set;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Judges a device's token before anything that it sent is read. After its round a device may still say what it has not said
 * yet and see how it did; it finds no models any more and starts nothing.
 */
@Component
class DeviceTokenInterceptor implements HandlerInterceptor, WebMvcConfigurer {
    private static final String JOIN = "/api/device/join";
    private static final Set<String> AFTER_THE_END = Set.of(
            "/api/device/seat",
            "/api/device/results",
            "/api/device/runs",
            "/api/device/progress",
            "/api/device/command",
            "/api/device/end",
            "/api/device/start");

    private final DeviceWork work;

    DeviceTokenInterceptor(DeviceWork work) {
        this.work = work;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/api/device/**").excludePathPatterns(JOIN);
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        work.letIn(request.getHeader(HttpHeaders.AUTHORIZATION), AFTER_THE_END.contains(request.getServletPath()));
        return true;
    }
}
