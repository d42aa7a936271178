<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use App\Problems\NoRoom;

/** Pages of records that a web server gives, kept as they came: one is the file, several are an archive of files, which become parts. */
final readonly class FeedSource implements RowSource
{
    /** As many as a delivery may have parts. */
    private const MOST_PAGES = 500;

    public function __construct(
        private string $name,
        private FeedAddress $address,
        private OuterGate $gate,
        private int $mostBytes,
        private ?FeedMemory $memory = null,
    ) {}

    public function greeting(): string
    {
        $page = tempnam(sys_get_temp_dir(), 'page');
        if ($page === false) {
            throw NoRoom::writing();
        }
        try {
            $answer =
                (new FeedRequest($this->gate, $this->address, $this->mostBytes))->into(
                    $this->address->with(''),
                    $page,
                    static fn(): bool => true,
                ) ?? throw new \LogicException('Nobody ends it.');
            $records = FeedPage::of($page, $answer, $this->address)->records;

            return $records === null
                ? 'it answers with '.number_format($answer->bytes).' bytes'
                : 'its first page has '.number_format($records).' records';
        } finally {
            @unlink($page);
        }
    }

    public function snapshot(string $what, string $path, \Closure $onProgress): ?Snapshot
    {
        $pages = [];
        try {
            $endings = $this->pages($what, $path, $onProgress, $pages);

            return $endings === null ? null : new Snapshot($this->together($pages, $endings, $path));
        } catch (SourceProblem $problem) {
            throw $problem->asUnreadable($this->name);
        } finally {
            foreach ($pages as $page) {
                @unlink($page);
            }
        }
    }

    /**
     * @param  \Closure(int, int): bool  $onProgress
     * @param  list<string>  $pages  paths, as they come
     * @return list<string>|null what they end with; null when it was ended
     */
    private function pages(string $what, string $path, \Closure $onProgress, array &$pages): ?array
    {
        $url = $first = $this->address->with($what);
        $request = new FeedRequest($this->gate, $this->address, $this->mostBytes, $this->memory);
        $seen = $digests = $endings = [];
        $records = $bytes = 0;
        $ends = hrtime(true) + $this->address->seconds * 1e9;
        while ($url !== null) {
            if (count($pages) === self::MOST_PAGES) {
                throw new SourceProblem('It has more than '.self::MOST_PAGES.' pages. Ask for larger ones, or for fewer records');
            }
            if (isset($seen[$url])) {
                throw new SourceProblem(
                    'It leads from page '.count($pages).' back to an earlier one, and never ends. Check how one comes to the next page',
                );
            }
            $seen[$url] = true;
            $page = "{$path}.page".count($pages);
            $pages[] = $page;
            $answer = $request->into(
                $url,
                $page,
                static fn(int $ofPage): bool => hrtime(true) < $ends && $onProgress($records, $bytes + $ofPage),
            );
            if ($answer === null) {
                if (hrtime(true) >= $ends) {
                    throw new SourceProblem(
                        "It took more than {$this->address->seconds} seconds, which is as long as this connection allows",
                    );
                }

                return null;
            }
            $bytes += $answer->bytes;
            if ($bytes > $this->mostBytes) {
                throw new SourceProblem(sprintf('It is more than %s bytes', number_format($this->mostBytes)));
            }
            $found = FeedPage::of($page, $answer, $this->address);
            if ($found->records === 0 && count($pages) > 1) {
                // A page without records comes after the last one.
                @unlink($page);
                array_pop($pages);
                break;
            }
            $digest = (string) hash_file('sha256', $page);
            if (isset($digests[$digest])) {
                throw new SourceProblem('Page '.count($pages).' is page '.$digests[$digest].' again. Check how one comes to the next page');
            }
            $digests[$digest] = count($pages);
            $endings[] = $answer->ending();
            $records += $found->records ?? 0;
            $url = $found->next($url, $first, count($pages), $records);
        }

        return $onProgress($records, $bytes) ? $endings : null;
    }

    /**
     * @param  list<string>  $pages
     * @param  list<string>  $endings
     * @return int bytes
     */
    private function together(array $pages, array $endings, string $path): int
    {
        if (count($pages) === 1) {
            rename($pages[0], $path);
        } else {
            $names = array_map(
                static fn(int $number, string $ending): string => sprintf('page %03d.%s', $number + 1, $ending),
                array_keys($endings),
                $endings,
            );
            PartsArchive::write(array_combine($names, $pages), $path);
        }
        clearstatcache(true, $path);

        return (int) filesize($path);
    }
}
