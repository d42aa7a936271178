<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/**
 * Where a feed stands, how it is entered, and how one comes from a page of it to the next.
 *
 * @phpstan-import-type Settings from SourceAddress
 */
final readonly class FeedAddress
{
    private const SECONDS = 1_800;

    /**
     * @param  string  $header  of a request, in which the token is shown
     * @param  string  $prefix  the word that stands before it, if one does
     * @param  string  $paging  link: the header of that name (RFC 8288); next: a field with the next address; cursor: a field with what the
     *     parameter is next; page and offset: the parameter counts pages or records
     * @param  string  $parameter  of the address, of page, offset and cursor
     * @param  string  $field  with the next address or the cursor: names from the outermost on, with points between them
     * @param  string  $records  where the list of records stands, in the same way; '' for the whole answer
     * @param  int  $size  records of a page, of offset
     * @param  int  $first  number of the first page, of page
     */
    private function __construct(
        public string $url,
        #[\SensitiveParameter]
        public string $token,
        public string $header,
        public string $prefix,
        public string $paging,
        public string $parameter,
        public string $field,
        public string $records,
        public int $size,
        public int $first,
        public int $seconds,
    ) {}

    /** @param Settings $settings */
    public static function of(array $settings, #[\SensitiveParameter] string $token): self
    {
        return new self(
            $settings['url'] ?? '',
            $token,
            $settings['header'] ?? 'Authorization',
            $settings['prefix'] ?? 'Bearer',
            $settings['paging'] ?? 'none',
            $settings['parameter'] ?? 'page',
            $settings['field'] ?? 'next',
            $settings['records'] ?? '',
            $settings['size'] ?? 100,
            $settings['first'] ?? 1,
            $settings['seconds'] ?? self::SECONDS,
        );
    }

    /** What lets one in, as it is shown. */
    public function shown(): string
    {
        return trim("{$this->prefix} {$this->token}");
    }

    /** @param string $further what is added: a path, a query, or both */
    public function with(string $further): string
    {
        if ($further === '') {
            return $this->url;
        }
        $isQuery = str_starts_with($further, '?');

        return $isQuery
            ? $this->url.(str_contains($this->url, '?') ? '&' : '?').substr($further, 1)
            : rtrim($this->url, '/').'/'.ltrim($further, '/');
    }
}
