<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use App\Models\Receipt;
use App\Problems\NoRoom;

/** Where the chunks of a part are put together until it is whole. */
final readonly class ChunkFolder
{
    public function __construct(private string $folder) {}

    public function path(Receipt $receipt): string
    {
        return $this->pathOf($receipt->id);
    }

    public function pathOf(string $receiptId): string
    {
        return "{$this->folder}/{$receiptId}";
    }

    public function write(Receipt $receipt, int $offset, string $chunk): void
    {
        $file = @fopen($this->path($receipt), 'cb');
        if ($file === false || fseek($file, $offset) !== 0 || @fwrite($file, $chunk) !== strlen($chunk) || ! fclose($file)) {
            throw NoRoom::writing();
        }
        chmod($this->path($receipt), 0600);
    }

    public function remove(Receipt $receipt): void
    {
        if (is_file($this->path($receipt))) {
            unlink($this->path($receipt));
        }
    }
}
