<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use NineTally\Core\Intake\UnreadableFile;

/** Where rows are drawn from, by whoever may read there. */
interface RowSource
{
    /**
     * What it is, in a few words: whoever hears them knows that it can be entered.
     *
     * @throws SourceProblem
     */
    public function greeting(): string;

    /**
     * What is asked for, as a file: of a database the rows of a query as JSON Lines, an object a row with its columns in their order, text
     * as the database writes it, so no number is bent, binary as hexadecimal digits, and null where it is null; of a feed what it gives, as
     * it is, in an archive where it comes in several pages; of a place for files the files themselves.
     *
     * @param  string  $what  a query; of a feed what is added to its address; of a place for files their name
     * @param  \Closure(int, int): bool  $onProgress  told rows and bytes; false ends it, in the database too
     * @return Snapshot|null null when it was ended
     *
     * @throws UnreadableFile
     * @throws Files\NothingNew of a place for files, where what is new alone was asked for
     */
    public function snapshot(string $what, string $path, \Closure $onProgress): ?Snapshot;
}
