<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use App\Problems\NoRoom;

/** How much may still be written; asked before long work, so that nobody waits an hour for a full disk. */
final readonly class Room
{
    /** Left free for what everybody else writes meanwhile. */
    private const RESERVE = 256 * 1024 * 1024;

    public function __construct(private string $folder) {}

    public function free(): int
    {
        return (int) @disk_free_space($this->folder);
    }

    /** @throws NoRoom */
    public function mustHave(int $bytes): void
    {
        $free = $this->free();
        if ($free < $bytes + self::RESERVE) {
            throw NoRoom::before($bytes + self::RESERVE, $free);
        }
    }
}
