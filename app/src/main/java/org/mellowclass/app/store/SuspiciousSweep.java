package org.mellowclass.app.store;

import java.io.IOException;

/** More than a small share of the store seems to be named by nobody: rather a mistake than waste. */
public final class SuspiciousSweep extends IOException {

    SuspiciousSweep(int unnamed, int all) {
        super(unnamed + " of " + all + " files are named by no row; nothing was swept");
    }
}
