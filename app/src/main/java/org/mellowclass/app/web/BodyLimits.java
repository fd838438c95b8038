package org.mellowclass.app.web;

import java.io.IOException;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.HandlerExceptionResolver;

/**
 * How much may come with a request, before anything of it is read: what pages send is small. Sound, in chunks and in files, has limits of its own where it
 * is taken, and a class's list is larger. The proxy in front has the same limits.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
class BodyLimits extends OncePerRequestFilter {

    static final int MOST_BYTES = 256 << 10;
    private static final long LARGEST_LIST_BYTES = 2L << 20;

    private final HandlerExceptionResolver refusals;

    BodyLimits(@Qualifier("handlerExceptionResolver") HandlerExceptionResolver refusals) {
        this.refusals = refusals;
    }

    /** More has come than was announced. */
    static final class TooMuch extends IOException {
        private static final long serialVersionUID = 1;
    }

    static Refusal refusal() {
        return new Refusal(HttpStatus.PAYLOAD_TOO_LARGE, "too-much");
    }

    private static long most(HttpServletRequest request) {
        String type = request.getContentType();
        String path = request.getRequestURI();
        boolean sound = path.startsWith("/uploads/") || path.startsWith("/files/") || type != null && (type.regionMatches(true, 0, "multipart/", 0, 10) || type.contains("octet-stream"));
        if (sound) {
            return Long.MAX_VALUE;
        }
        return path.endsWith("/roster") || path.endsWith("/roster/confirm") ? LARGEST_LIST_BYTES : MOST_BYTES;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        long most = most(request);
        if (request.getContentLengthLong() > most) {
            // what was sent is not read: the connection is of no more use
            response.setHeader(HttpHeaders.CONNECTION, "close");
            refusals.resolveException(request, response, null, refusal());
            return;
        }
        chain.doFilter(request.getContentLengthLong() < 0 && most < Long.MAX_VALUE ? bounded(request, most) : request, response);
    }

    private static HttpServletRequest bounded(HttpServletRequest request, long most) {
        return new HttpServletRequestWrapper(request) {
            @Override
            public ServletInputStream getInputStream() throws IOException {
                return new Bounded(super.getInputStream(), most);
            }
        };
    }

    private static final class Bounded extends ServletInputStream {

        private final ServletInputStream in;
        private long left;

        private Bounded(ServletInputStream in, long most) {
            this.in = in;
            this.left = most;
        }

        private int taken(int bytes) throws TooMuch {
            left -= Math.max(0, bytes);
            if (left < 0) {
                throw new TooMuch();
            }
            return bytes;
        }

        @Override
        public int read() throws IOException {
            int value = in.read();
            taken(value < 0 ? 0 : 1);
            return value;
        }

        @Override
        public int read(byte[] into, int offset, int length) throws IOException {
            return taken(in.read(into, offset, length));
        }

        @Override
        public boolean isFinished() {
            return in.isFinished();
        }

        @Override
        public boolean isReady() {
            return in.isReady();
        }

        @Override
        public void setReadListener(ReadListener listener) {
            in.setReadListener(listener);
        }
    }
}
