<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use GuzzleHttp\Psr7\Uri;
use GuzzleHttp\Psr7\UriResolver;

/** A page of a feed: how many records it has, and where the next one is. Its values are read by nobody here. */
final readonly class FeedPage
{
    /**
     * @param  int|null  $records  null where it is no JSON, or has no list where one is said to be
     * @param  string|null  $led  what the page itself says of the next one: an address, or a cursor
     */
    private function __construct(public ?int $records, private ?string $led, private FeedAddress $address) {}

    /** @throws SourceProblem when the records cannot be where they are said to be */
    public static function of(string $path, FeedAnswer $answer, FeedAddress $address): self
    {
        if ($address->paging->kind === 'none' && $address->paging->records === '') {
            return new self(null, null, $address);
        }
        if ($answer->ending() !== 'json') {
            return new self(null, $answer->next(), $address);
        }
        $page = json_decode((string) file_get_contents($path), true, 512, JSON_BIGINT_AS_STRING);
        if (! is_array($page)) {
            throw new SourceProblem(
                'It does not answer with JSON. It began with: '.mb_substr(trim((string) file_get_contents($path, length: 80)), 0, 60),
            );
        }
        $records = $address->paging->records === '' ? $page : self::at($page, $address->paging->records);
        if (! is_array($records) || ($records !== [] && ! array_is_list($records))) {
            throw new SourceProblem($address->paging->records === ''
                ? 'Its answer is no list of records. Say where the list stands in it'
                : "There is no list of records at \"{$address->paging->records}\". Check where it stands");
        }
        $led = $address->paging->kind === 'link' ? $answer->next() : self::at($page, $address->paging->field);

        return new self(count($records), is_scalar($led) && $led !== '' && $led !== false ? (string) $led : null, $address);
    }

    /**
     * @param  int  $pages  that came
     * @param  int  $records  in them
     */
    public function next(string $url, string $first, int $pages, int $records): ?string
    {
        return match ($this->address->paging->kind) {
            'link', 'next' => $this->led === null ? null : (string) UriResolver::resolve(new Uri($url), new Uri($this->led)),
            'cursor' => $this->led === null ? null : $this->asked($first, $this->led),
            'page' => $this->asked($first, (string) ($this->address->paging->first + $pages)),
            // A page that is not full is the last one.
            'offset' => ($this->records ?? 0) < $this->address->paging->size ? null : $this->asked($first, (string) $records),
            default => null,
        };
    }

    private function asked(string $url, string $value): string
    {
        return (string) Uri::withQueryValue(new Uri($url), $this->address->paging->parameter, $value);
    }

    /** @param array<array-key, mixed> $page */
    private static function at(array $page, string $path): mixed
    {
        $at = $page;
        foreach (explode('.', $path) as $name) {
            if (! is_array($at) || ! array_key_exists($name, $at)) {
                return null;
            }
            $at = $at[$name];
        }

        return $at;
    }
}
