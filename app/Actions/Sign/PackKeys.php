<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Adapters\Seal\SealKeys;
use App\Adapters\Seal\TimeStamps;
use App\Models\KeyRotation;
use NineTally\Core\Seal\BagWriter;

/** The keys of a pack: the one that seals it, and how those who know an earlier one come to it. */
final readonly class PackKeys
{
    public function __construct(public SealKeys $seals, public TimeStamps $timeStamps) {}

    /** Whoever holds the fingerprint of an earlier key finds the one that seals by what each said of the next. */
    public function write(BagWriter $bag): void
    {
        foreach (KeyRotation::query()->whereNotNull('statement')->with('old')->orderBy('id')->get() as $place => $rotation) {
            $name = 'keys/'.($place + 1);
            $bag->text("{$name}-key.pem", $rotation->old->pem);
            $bag->text("{$name}-hand-over.json", (string) $rotation->statement);
            $bag->text("{$name}-hand-over.sig", (string) base64_decode((string) $rotation->signature, true));
        }
        if ($this->timeStamps->areTaken()) {
            $bag->text(substr(BagWriter::AUTHORITY, strlen('data/')), $this->timeStamps->authority());
        }
    }
}
