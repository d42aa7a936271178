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
    /**
     * @param  string  $header  of a request, in which the token is shown
     * @param  string  $prefix  the word that stands before it, if one does
     * @param  int  $seconds  that all of its pages may take
     */
    private function __construct(
        public string $url,
        #[\SensitiveParameter]
        public string $token,
        public string $header,
        public string $prefix,
        public FeedPaging $paging,
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
            FeedPaging::of($settings),
            QueryLimits::of($settings)->seconds,
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

        return str_starts_with($further, '?')
            ? $this->url.(str_contains($this->url, '?') ? '&' : '?').substr($further, 1)
            : rtrim($this->url, '/').'/'.ltrim($further, '/');
    }
}
