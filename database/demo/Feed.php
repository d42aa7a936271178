<?php

declare(strict_types=1);

namespace Database\Demo;

/** A stand-in for a system whose records are asked for by the web: the new register gives its inspections in pages, as JSON. */
final readonly class Feed
{
    public const NAME = 'Register service';

    public const PATH = '/inspections';

    /** Records of a page. */
    private const PAGE = 250;

    /** @return array{status: int, mark: string, body: string} what is answered to a path with its page */
    public static function answer(string $path, int $page): array
    {
        if ($path !== self::PATH) {
            return ['status' => 404, 'mark' => '', 'body' => '{"error":"There is nothing of this name."}'];
        }
        $records = array_map(
            static fn(array $row): array => array_combine(Inspections::TARGET_COLUMNS, $row),
            array_slice(Inspections::targetRows(), max(0, $page - 1) * self::PAGE, self::PAGE),
        );
        $body = json_encode(['page' => $page, 'inspections' => $records], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);

        return ['status' => 200, 'mark' => '"'.hash('xxh128', $body).'"', 'body' => $body];
    }
}
