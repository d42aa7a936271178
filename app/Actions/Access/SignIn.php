<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\KnownDevice;
use App\Models\SecondFactor;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\SecondFactorNeeded;
use Illuminate\Contracts\Cache\Repository;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Validation\ValidationException;

/** Signs a person in. An unknown account and a wrong password get the same answer after the same work. */
final readonly class SignIn
{
    public function __construct(
        private SignInDelays $delays,
        private Hasher $hasher,
        private Repository $cache,
        private Trail $trail,
        private KeepSecondFactor $secondFactor,
    ) {}

    /**
     * @param  string  $code  of the second factor; '' where none was given
     * @param  string  $address  of the network
     * @param  string  $device  what the browser was given when somebody signed in from it; '' where nobody has
     *
     * @throws ValidationException
     * @throws \App\Problems\TooManyTries
     * @throws SecondFactorNeeded when the password is right, and the person has a second factor
     */
    public function __invoke(
        string $email,
        #[\SensitiveParameter]
        string $password,
        #[\SensitiveParameter]
        string $code,
        string $address,
        #[\SensitiveParameter]
        string $device,
    ): User {
        $person = User::withEmail($email)->first();
        $counted = KnownDevice::isOf($person, $device)
            ? ['device' => KnownDevice::digest($device)]
            : ['account' => mb_strtolower($email), 'network' => self::network($address)];
        $this->delays->mayTry($counted);
        $hash = $person instanceof User
            ? $person->getAuthPassword()
            : $this->cache->rememberForever('sign-in:nobody', fn(): string => $this->hasher->make('nobody'));
        $isRight = $this->hasher->check($password, $hash);
        if (! $isRight || $person === null || $person->locked_at !== null) {
            $this->trail->note(TrailAct::Failed, $person, $person === null ? 'no such account' : ($isRight ? 'locked' : 'wrong password'));
            throw ValidationException::withMessages(['email' => 'The address or the password is not right. Check both and try again.']);
        }
        $this->showsSecondFactor($person, $code);
        $this->delays->wasRight($counted);
        if ($this->hasher->needsRehash($person->getAuthPassword())) {
            $person->update(['password' => $password]);
        }

        return $person;
    }

    private function showsSecondFactor(User $person, #[\SensitiveParameter] string $code): void
    {
        if (SecondFactor::of($person) === null) {
            return;
        }
        if ($code === '') {
            throw new SecondFactorNeeded;
        }
        try {
            $this->secondFactor->take($person, $code);
        } catch (ValidationException $wrong) {
            $this->trail->note(TrailAct::Failed, $person, 'wrong second factor');
            throw $wrong;
        }
    }

    /** Of IPv6 the half that a network has to itself (RFC 4291, 2.5.4): one machine has as many addresses there as it likes. */
    private static function network(string $address): string
    {
        $bytes = (string) @inet_pton($address);

        return strlen($bytes) === 16 ? bin2hex(substr($bytes, 0, 8)) : $address;
    }
}
