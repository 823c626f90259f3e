package org.youngtally.core.act;

import java.util.Optional;

/**
 * By what a repeated request is known.
 *
 * @param account who asks
 * @param key the caller's token for this one request
 * @param digest of what was asked, as it was sent, so that another request under the same key or reference is told
 *     apart
 */
public record RequestMark(String account, Optional<String> key, String digest) {}
