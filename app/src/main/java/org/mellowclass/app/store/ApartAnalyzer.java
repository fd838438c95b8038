package org.mellowclass.app.store;

import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** Says in plain words why the application did not start with a folder and a database that do not belong together. */
class ApartAnalyzer extends AbstractFailureAnalyzer<StoreIdentity.Apart> {

    @Override
    protected FailureAnalysis analyze(Throwable rootFailure, StoreIdentity.Apart cause) {
        return new FailureAnalysis(cause.getMessage(), "Look at mellow.folder and spring.datasource.url: both must be of one school.", cause);
    }
}
