<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use App\Adapters\Storage\BlobStore;
use App\Models\FeedPageMark;

/** Pages that a connection gave before, as long as a delivery keeps their bytes: a server that knows them need not send them again. */
final readonly class FeedMemory
{
    public function __construct(private BlobStore $blobs, private int $connection) {}

    /** @return FeedPageMark|null null when the page is not known, or not kept */
    public function of(string $url): ?FeedPageMark
    {
        $mark = FeedPageMark::query()->where($this->page($url))->first();

        return $mark !== null && $this->blobs->has($mark->digest) ? $mark : null;
    }

    public function copy(FeedPageMark $mark, string $path): bool
    {
        return @copy($this->blobs->path($mark->digest), $path) && hash_file('sha256', $path) === $mark->digest;
    }

    public function remember(string $url, FeedAnswer $answer, string $path): void
    {
        if ($answer->mark !== '') {
            FeedPageMark::query()->updateOrCreate($this->page($url), [
                'mark' => $answer->mark, 'digest' => hash_file('sha256', $path), 'type' => $answer->type, 'link' => $answer->link,
            ]);
        }
    }

    /** @return array{connection_id: int, address: string} */
    private function page(string $url): array
    {
        return ['connection_id' => $this->connection, 'address' => hash('sha256', $url)];
    }
}
