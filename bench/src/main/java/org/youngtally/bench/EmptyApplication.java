package org.youngtally.bench;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.SpringBootConfiguration;
import org.springframework.boot.autoconfigure.EnableAutoConfiguration;

/** A web application of Spring Boot with nothing in it but what it brings. */
@SpringBootConfiguration
@EnableAutoConfiguration
class EmptyApplication {
    public static void main(String[] args) {
        SpringApplication.run(EmptyApplication.class, args);
    }
}
