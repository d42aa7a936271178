<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/**
 * How one comes from a page of a feed to the next.
 *
 * @phpstan-import-type Settings from SourceAddress
 */
final readonly class FeedPaging
{
    /**
     * @param  string  $kind  link: the header of that name (RFC 8288); next: a field with the next address; cursor: a field with what the
     *     parameter is next; page and offset: the parameter counts pages or records; none
     * @param  string  $parameter  of the address, of page, offset and cursor
     * @param  string  $field  with the next address or the cursor: names from the outermost on, with points between them
     * @param  string  $records  where the list of records stands, in the same way; '' for the whole answer
     * @param  int  $size  records of a page, of offset
     * @param  int  $first  number of the first page, of page
     */
    private function __construct(
        public string $kind,
        public string $parameter,
        public string $field,
        public string $records,
        public int $size,
        public int $first,
    ) {}

    /** @param Settings $settings */
    public static function of(array $settings): self
    {
        return new self(
            $settings['paging'] ?? 'none',
            $settings['parameter'] ?? 'page',
            $settings['field'] ?? 'next',
            $settings['records'] ?? '',
            $settings['size'] ?? 100,
            $settings['first'] ?? 1,
        );
    }
}
