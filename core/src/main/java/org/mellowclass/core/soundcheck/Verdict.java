package org.mellowclass.core.soundcheck;

/** What a reading means, from best to worst; {@code DOES_NOT_APPLY} where there is nothing to judge. */
public enum Verdict { DOES_NOT_APPLY, GOOD, CHECK, FIX }
