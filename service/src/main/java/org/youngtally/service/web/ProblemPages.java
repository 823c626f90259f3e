package org.youngtally.service.web;

import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** Explains each type of problem at the address that names it. */
@RestController
class ProblemPages {
    @GetMapping(path = "/problems/{code}", produces = MediaType.TEXT_PLAIN_VALUE)
    ResponseEntity<String> explain(@PathVariable String code) {
        for (Problem.Type type : Problem.Type.values())
            if (type.code().equals(code)) return ResponseEntity.ok(type.title() + "\n\n" + type.explanation() + "\n");
        return ResponseEntity.notFound().build();
    }
}
