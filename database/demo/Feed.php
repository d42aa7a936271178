<?php

declare(strict_types=1);

namespace Database\Demo;

/** A stand-in for a system whose records are asked for by the web: the new register gives them in pages, as JSON. */
final readonly class Feed
{
    public const NAME = 'Register service';

    /** Where the list stands in a page. */
    public const RECORDS = 'entries';

    /** @param string $folder in which a page is a file */
    public function __construct(private string $folder) {}

    public function write(): void
    {
        foreach (Wherrymoor::drawn() as $drawn) {
            $rows = ($drawn->sides)()['target'];
            $records = [];
            $page = 1;
            foreach ($rows->cells as $cells) {
                $records[] = array_combine($rows->columns, $cells);
                if (count($records) === $drawn->page) {
                    $this->keep($drawn->path, $page++, $records);
                    $records = [];
                }
            }
            $this->keep($drawn->path, $page, $records);
            $this->keep($drawn->path, $page + 1, []);
        }
    }

    /** @return array{status: int, mark: string, body: string} what is answered to a path with its page */
    public function answer(string $path, int $page): array
    {
        $file = preg_match('#^/([a-z]+)$#', $path, $found) === 1 ? $this->file($found[1], max(1, $page)) : '';
        if ($file === '' || ! is_file($file)) {
            return ['status' => 404, 'mark' => '', 'body' => '{"error":"There is nothing of this name."}'];
        }
        $body = (string) file_get_contents($file);

        return ['status' => 200, 'mark' => '"'.hash('xxh128', $body).'"', 'body' => $body];
    }

    /** @param list<array<string, string>> $records */
    private function keep(string $path, int $page, array $records): void
    {
        file_put_contents(
            $this->file($path, $page),
            json_encode(['page' => $page, self::RECORDS => $records], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
        );
    }

    private function file(string $path, int $page): string
    {
        return "{$this->folder}/{$path}-{$page}.json";
    }
}
