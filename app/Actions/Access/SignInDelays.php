<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Problems\TooManyTries;
use Illuminate\Contracts\Cache\LockProvider;
use Illuminate\Contracts\Cache\Repository;

/**
 * Who guesses passwords waits longer after each try: by account, and by network. Nobody is kept from an account of their own by others
 * who guess at it: a device that its owner has signed in from before counts for itself alone (NIST SP 800-63B-4, 3.2.2).
 */
final readonly class SignInDelays
{
    /** Tries before the first wait, and the longest wait in seconds. */
    private const LIMITS = ['account' => [5, 900], 'network' => [20, 60], 'device' => [10, 60]];

    private const FORGOTTEN_AFTER_SECONDS = 3_600;

    public function __construct(private Repository $cache) {}

    /**
     * Counts a try, before it is known whether it is right: tries at the same moment count each.
     *
     * @param  array<'account'|'network'|'device', string>  $of  what is counted, and for what
     *
     * @throws TooManyTries when one of them has to wait
     */
    public function mayTry(array $of): void
    {
        $wait = 0;
        foreach ($of as $kind => $name) {
            $wait = max($wait, $this->locked($kind, $name, fn(): int => $this->count($kind, $name)));
        }
        if ($wait > 0) {
            throw new TooManyTries($wait);
        }
    }

    /** @param array<'account'|'network'|'device', string> $of */
    public function wasRight(array $of): void
    {
        foreach ($of as $kind => $name) {
            $this->cache->forget($this->key($kind, $name));
        }
    }

    /** @return int seconds to wait; 0 when it may be tried, which counts */
    private function count(string $kind, string $name): int
    {
        [$free, $longest] = self::LIMITS[$kind];
        /** @var array{tries: int, until: int} $counted */
        $counted = $this->cache->get($this->key($kind, $name)) ?? ['tries' => 0, 'until' => 0];
        $now = now()->getTimestamp();
        if ($counted['until'] > $now) {
            return $counted['until'] - $now;
        }
        $tries = $counted['tries'] + 1;
        $wait = $tries < $free ? 0 : min($longest, 2 ** min(16, $tries - $free + 2));
        $this->cache->put($this->key($kind, $name), ['tries' => $tries, 'until' => $now + $wait], self::FORGOTTEN_AFTER_SECONDS);

        return 0;
    }

    /** @param \Closure(): int $work */
    private function locked(string $kind, string $name, \Closure $work): int
    {
        $store = $this->cache->getStore();
        if (! $store instanceof LockProvider) {
            return $work();
        }
        $result = $store->lock($this->key($kind, $name).':lock', 5)->block(5, $work);

        return is_int($result) ? $result : 0;
    }

    private function key(string $kind, string $name): string
    {
        return "sign-in:{$kind}:".hash('sha256', $name);
    }
}
