package org.mellowclass.app.web;

import java.security.Principal;
import java.util.Locale;

import com.fasterxml.jackson.core.exc.StreamConstraintsException;
import jakarta.servlet.http.HttpServletRequest;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.core.timeline.TimelineTooLong;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;
import org.springframework.context.MessageSource;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.resource.NoResourceFoundException;

/** Turns refusals into an answer in plain words, before Spring's own: a problem for scripts, a page for people. */
@ControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE)
class RefusalPages {

    private static final Logger LOG = LoggerFactory.getLogger(RefusalPages.class);

    private final MessageSource messages;
    private final SecurityLog log;

    RefusalPages(MessageSource messages, SecurityLog log) {
        this.messages = messages;
        this.log = log;
    }

    @ExceptionHandler
    Object refused(Refusal refusal, HttpServletRequest request) {
        Object answer = answer(request, refusal.status(), text("refusal." + refusal.code(), refusal.arguments()));
        if (answer instanceof ResponseEntity<?> entity && entity.getBody() instanceof ProblemDetail problem) {
            problem.setProperty("code", refusal.code());
            problem.setProperty("field", refusal.field());
        }
        return answer;
    }

    @ExceptionHandler
    Object refused(EditRefused refusal, HttpServletRequest request) {
        boolean conflict = refusal.reason() == EditRefused.Reason.CHANGED_MEANWHILE;
        return answer(request, conflict ? HttpStatus.CONFLICT : HttpStatus.UNPROCESSABLE_ENTITY,
                text("refusal.edit." + refusal.reason()));
    }

    @ExceptionHandler
    Object tooLong(TimelineTooLong tooLong, HttpServletRequest request) {
        return answer(request, HttpStatus.UNPROCESSABLE_ENTITY, text("refusal.edit.TOO_LONG"));
    }

    @ExceptionHandler
    Object tooLarge(MaxUploadSizeExceededException tooLarge, HttpServletRequest request) {
        return answer(request, HttpStatus.PAYLOAD_TOO_LARGE, text("refusal.take.TOO_LARGE"));
    }

    @ExceptionHandler
    Object notFound(NotFound notFound, HttpServletRequest request) {
        Principal viewer = request.getUserPrincipal();
        if (viewer != null && viewer.getName().matches("\\d{1,18}")) {
            log.denied(Long.parseLong(viewer.getName()), request.getMethod() + " " + request.getRequestURI().replaceAll("[0-9a-f]{32}", "…"));
        }
        return answer(request, HttpStatus.NOT_FOUND, text("refusal.not-found"));
    }

    @ExceptionHandler({MethodArgumentTypeMismatchException.class, NoResourceFoundException.class})
    Object notAnAddress(HttpServletRequest request) {
        return answer(request, HttpStatus.NOT_FOUND, text("refusal.not-found"));
    }

    @ExceptionHandler({HttpMessageNotReadableException.class, MissingServletRequestParameterException.class,
        IllegalArgumentException.class})
    Object notUnderstood(Exception notUnderstood, HttpServletRequest request) {
        LOG.info("not understood: {}", notUnderstood.toString());
        for (Throwable cause = notUnderstood; cause != null; cause = cause.getCause()) {
            if (cause instanceof StreamConstraintsException || cause instanceof BodyLimits.TooMuch) {
                return refused(BodyLimits.refusal(), request);
            }
        }
        return answer(request, HttpStatus.BAD_REQUEST, text("refusal.not-understood"));
    }

    @ExceptionHandler(HttpRequestMethodNotSupportedException.class)
    Object notThatWay(HttpServletRequest request) {
        return answer(request, HttpStatus.METHOD_NOT_ALLOWED, text("refusal.not-understood"));
    }

    private Object answer(HttpServletRequest request, HttpStatus status, String text) {
        String accept = request.getHeader(HttpHeaders.ACCEPT);
        if (accept == null || !accept.contains(MediaType.TEXT_HTML_VALUE)) {
            return ResponseEntity.status(status).contentType(MediaType.APPLICATION_PROBLEM_JSON)
                    .body(ProblemDetail.forStatusAndDetail(status, text));
        }
        ModelAndView page = new ModelAndView("error", status);
        page.addObject("status", status.value());
        page.addObject("text", text);
        page.addObject("requestId", MDC.get(RequestIds.KEY));
        return page;
    }

    private String text(String code, Object... arguments) {
        return messages.getMessage(code, arguments, Locale.UK);
    }
}
