<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** What a web server answered, beside the page itself. */
final readonly class FeedAnswer
{
    /**
     * @param  string  $link  the header of links (RFC 8288); '' where there is none
     * @param  string  $mark  by which the server knows the page (ETag); '' where it has none
     */
    public function __construct(public int $bytes, public string $type, public string $link, public string $mark = '') {}

    /** Of the file, by what it is said to be. */
    public function ending(): string
    {
        return match (true) {
            str_contains($this->type, 'ndjson'), str_contains($this->type, 'jsonl'), str_contains($this->type, 'json-seq') => 'jsonl',
            str_contains($this->type, 'xml') => 'xml',
            str_contains($this->type, 'csv'), str_contains($this->type, 'text/plain') => 'csv',
            default => 'json',
        };
    }

    /** The address of the next page, where it is named. */
    public function next(): ?string
    {
        foreach (explode(',', $this->link) as $link) {
            if (preg_match('/<([^>]+)>\s*;.*\brel="?next"?/i', $link, $found) === 1) {
                return $found[1];
            }
        }

        return null;
    }
}
