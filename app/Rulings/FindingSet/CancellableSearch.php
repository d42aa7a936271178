<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

use App\Problems\Conflict;
use Illuminate\Database\Connection;
use Illuminate\Database\QueryException;

/**
 * A search through findings that may take seconds. It ends when the same page of a browser begins another: whoever chose the next filter
 * has left this one, and would wait for the processors that it keeps. Searches are known by the name of their connection. All
 * processors look.
 */
final readonly class CancellableSearch
{
    private const CANCELLED = '57014';

    /** @param string|null $page that asks, as it calls itself; null where nobody can leave */
    public function __construct(private Connection $database, private ?string $page) {}

    /**
     * @template Found
     *
     * @param  string  $digest  of what is looked for: the same may be looked for twice at once
     * @param  \Closure(): Found  $search
     * @return Found
     *
     * @throws Conflict when the page began another search meanwhile
     */
    public function replacingPrevious(string $digest, \Closure $search): mixed
    {
        $page = $this->page !== null && preg_match('/^[0-9a-f]{16}$/D', $this->page) === 1 ? $this->page : null;
        $name = $page === null ? '' : "search {$page} ".substr($digest, 0, 16);
        if ($page !== null) {
            $this->database->select(
                "SELECT pg_cancel_backend(pid) FROM pg_stat_activity WHERE starts_with(application_name, ?) AND application_name <> ? ".
                    "AND state = 'active'",
                ["search {$page} ", $name],
            );
        }
        try {
            return $this->database->transaction(function () use ($name, $search): mixed {
                // To the end of the transaction, however it ends: the next request may get the same connection. How much is found the
                // database
                // cannot know, and would rather look with one processor than hand over much.
                $this->database->select(
                    "SELECT set_config('application_name', ?, true), set_config('parallel_setup_cost', '0', true), ".
                        "set_config('parallel_tuple_cost', '0', true)",
                    [$name],
                );

                return $search();
            });
        } catch (QueryException $failed) {
            throw $failed->getCode() === self::CANCELLED
                ? Conflict::because(
                    'given-up',
                    'Another list was asked for meanwhile, so this one was not looked for to its end. Ask for it again if it is still '.
                        'wanted.',
                )
                : $failed;
        }
    }
}
