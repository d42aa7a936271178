<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use Illuminate\Database\Connection;

/** Which contents something still stands on that was neither purged nor removed. */
final readonly class KeptDigests
{
    public function __construct(private Connection $database) {}

    public function has(string $digest): bool
    {
        return $this->database->table('kept_digests')->where('digest', $digest)->exists();
    }
}
