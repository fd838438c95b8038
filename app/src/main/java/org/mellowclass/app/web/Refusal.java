package org.mellowclass.app.web;

import org.springframework.http.HttpStatus;

/** Something that cannot be done now, for a reason that a person can act on. The words are in the message bundle. */
public class Refusal extends RuntimeException {

    private final HttpStatus status;
    private final String code;
    private final transient Object[] arguments;
    private String field;

    /** @param code the message {@code refusal.CODE} */
    public Refusal(HttpStatus status, String code, Object... arguments) {
        super(code);
        this.status = status;
        this.code = code;
        this.arguments = arguments.clone();
    }

    /** What was sent makes no sense here. */
    public static Refusal unfit(String code, Object... arguments) {
        return new Refusal(HttpStatus.UNPROCESSABLE_ENTITY, code, arguments);
    }

    /** It does not fit how things stand now. */
    public static Refusal conflict(String code, Object... arguments) {
        return new Refusal(HttpStatus.CONFLICT, code, arguments);
    }

    /** Says which field of a form it is about. */
    public Refusal at(String name) {
        field = name;
        return this;
    }

    /** The field that it is about; null if it is about none. */
    String field() {
        return field;
    }

    HttpStatus status() {
        return status;
    }

    public String code() {
        return code;
    }

    public Object[] arguments() {
        return arguments.clone();
    }
}
