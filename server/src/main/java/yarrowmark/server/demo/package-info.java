/** The demo shelf of Saltmarsh Kit Review: invented devices and scores, made by a seeded generator. */
package yarrowmark.server.demo;
