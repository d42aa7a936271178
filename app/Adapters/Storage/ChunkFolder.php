<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use App\Models\Receipt;
use App\Problems\NoRoom;

/** Where the chunks of a part are put together until it is whole. */
final readonly class ChunkFolder
{
    private const TAIL = '.tail';

    private const ASKED = '.asked';

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

    /** The end of a packed text as it is unpacked, kept beside it: no page waits until it is found again. */
    public function keepTail(Receipt $receipt, string $bytes): void
    {
        if (@file_put_contents($this->path($receipt).self::TAIL, $bytes) !== strlen($bytes)) {
            throw NoRoom::writing();
        }
        chmod($this->path($receipt).self::TAIL, 0600);
    }

    /** Where the end of the text is read. */
    public function pathOfTail(Receipt $receipt): string
    {
        $kept = $this->path($receipt).self::TAIL;

        return is_file($kept) ? $kept : $this->path($receipt);
    }

    /** A statement that is too long to stand with the receipt, as one that names groups of rows is. */
    public function keepAsked(Receipt $receipt, string $statement): void
    {
        if (@file_put_contents($this->path($receipt).self::ASKED, $statement) !== strlen($statement)) {
            throw NoRoom::writing();
        }
    }

    public function asked(Receipt $receipt): ?string
    {
        $statement = @file_get_contents($this->path($receipt).self::ASKED);

        return $statement === false ? null : $statement;
    }

    public function remove(Receipt $receipt): void
    {
        foreach (['', self::TAIL, self::ASKED] as $ending) {
            if (is_file($this->path($receipt).$ending)) {
                unlink($this->path($receipt).$ending);
            }
        }
    }
}
