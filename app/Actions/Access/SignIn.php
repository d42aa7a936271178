<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\TrailAct;
use App\Models\User;
use Illuminate\Cache\RateLimiter;
use Illuminate\Contracts\Cache\Repository;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Validation\ValidationException;

/** Signs a person in. An unknown account and a wrong password get the same answer after the same work. */
final readonly class SignIn
{
    private const TRIES_PER_ACCOUNT = 5;

    private const TRIES_PER_ADDRESS = 30;

    private const SECONDS = 60;

    public function __construct(private RateLimiter $limiter, private Hasher $hasher, private Repository $cache, private Trail $trail) {}

    /** @throws ValidationException */
    public function __invoke(string $email, string $password, string $address): User
    {
        $limits = [
            'sign-in:account:'.hash('sha256', mb_strtolower($email)) => self::TRIES_PER_ACCOUNT,
            "sign-in:address:{$address}" => self::TRIES_PER_ADDRESS,
        ];
        foreach ($limits as $name => $tries) {
            if ($this->limiter->tooManyAttempts($name, $tries)) {
                throw ValidationException::withMessages([
                    'email' => sprintf('Too many tries. Wait %d seconds, then try again.', $this->limiter->availableIn($name)),
                ])->status(429);
            }
            $this->limiter->hit($name, self::SECONDS);
        }
        $person = User::query()->where('email', $email)->first();
        $hash = $person instanceof User
            ? $person->getAuthPassword()
            : $this->cache->rememberForever('sign-in:nobody', fn(): string => $this->hasher->make('nobody'));
        $isRight = $this->hasher->check($password, $hash);
        if (! $isRight || $person === null || $person->locked_at !== null) {
            $this->trail->note(TrailAct::Failed, $person, $person === null ? 'no such account' : ($isRight ? 'locked' : 'wrong password'));
            throw ValidationException::withMessages(['email' => 'The address or the password is not right. Check both and try again.']);
        }
        foreach (array_keys($limits) as $name) {
            $this->limiter->clear($name);
        }
        if ($this->hasher->needsRehash($person->getAuthPassword())) {
            $person->update(['password' => $password]);
        }

        return $person;
    }
}
