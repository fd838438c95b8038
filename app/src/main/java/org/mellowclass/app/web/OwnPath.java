package org.mellowclass.app.web;

import java.net.URI;

/** Addresses within the application, of what browsers say: nobody is ever led to another site. */
public final class OwnPath {

    private OwnPath() {
    }

    /** The path of an address; that of the start, if it is none. */
    public static String of(String address) {
        try {
            String path = address == null ? "/" : URI.create(address).getPath();
            return path != null && path.matches("/[A-Za-z0-9._-][A-Za-z0-9/._-]{0,300}") ? path : "/";
        } catch (IllegalArgumentException notAnAddress) {
            return "/";
        }
    }
}
