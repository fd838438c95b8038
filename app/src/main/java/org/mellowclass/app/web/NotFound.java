package org.mellowclass.app.web;

/** There is nothing there for this viewer: it does not exist, or belongs to others, and the answer does not tell which. */
public final class NotFound extends RuntimeException {
}
