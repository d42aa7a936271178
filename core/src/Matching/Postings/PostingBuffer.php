<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Postings;

use NineTally\Core\Matching\Spill\AtomicFile;

/**
 * Collects in which rows each pattern of forgiven cells stands: posting lists, divided by the upper bits of the row's number, so that
 * a posting takes two bytes and nothing is sorted before all partitions are known (after Chambi, Lemire et al. 2016, Roaring bitmaps).
 */
final class PostingBuffer
{
    public const LOW_BITS = 16;

    /** @var array<string, PostingList> */
    private array $lists = [];

    public function of(string $pattern): PostingList
    {
        return $this->lists[$pattern] ??= new PostingList;
    }

    /**
     * @return array<string, array<int, array{int, int}>> pattern
     *     => upper bits => where in the file they begin, and how many bytes they take
     */
    public function write(string $path): array
    {
        if ($this->lists === []) {
            return [];
        }
        $file = new AtomicFile($path);
        $index = [];
        $offset = 0;
        foreach ($this->lists as $pattern => $list) {
            foreach ($list->containers() as $high => $lows) {
                $file->write($lows);
                $index[$pattern][$high] = [$offset, strlen($lows)];
                $offset += strlen($lows);
            }
        }
        $file->finish();
        $this->lists = [];

        return $index;
    }
}
